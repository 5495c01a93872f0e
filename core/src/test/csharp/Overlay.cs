using System;
using System.Collections;
using System.Collections.Generic;
using System.Reflection;
using System.Xml.Linq;
using Protypos.Runtime;

/// <summary>Puts the members of one value over those of another, as code does that changes what it has read.</summary>
internal static class Overlay
{
    private const BindingFlags Own =
        BindingFlags.Instance | BindingFlags.NonPublic | BindingFlags.Public | BindingFlags.DeclaredOnly;

    /// <summary>Gives the first value, or one in its place, with what the second holds.</summary>
    internal static object Of(object under, object over)
    {
        if (over is XElement)
        {
            return new XElement((XElement)over);
        }
        Type type = over == null ? null : over.GetType();
        IList list = type != null && type.IsGenericType ? over as IList : null;
        if (list != null)
        {
            return OfList(under as IList, list);
        }
        if (type != null && type.IsGenericType && type.GetGenericTypeDefinition() == typeof(XmlElement<>))
        {
            PropertyInfo value = type.GetProperty("Value");
            object below = under != null && under.GetType() == type ? value.GetValue(under) : null;
            return Activator.CreateInstance(type, type.GetProperty("Name").GetValue(over), Of(below, value.GetValue(over)));
        }
        XmlObject content = over as XmlObject;
        if (content == null || type.Assembly == typeof(XmlObject).Assembly)
        {
            return over;
        }
        XmlObject changed = under != null && under.GetType() == type
            ? (XmlObject)under
            : (XmlObject)Activator.CreateInstance(type, true);
        foreach (FieldInfo field in Fields(type))
        {
            field.SetValue(changed, Of(field.GetValue(changed), field.GetValue(over)));
        }
        changed.IsXmlNil = content.IsXmlNil;
        return changed;
    }

    private static IList OfList(IList under, IList over)
    {
        IList list = (IList)Activator.CreateInstance(over.GetType());
        foreach (object item in over)
        {
            list.Add(Of(under != null && list.Count < under.Count ? under[list.Count] : null, item));
        }
        return list;
    }

    private static IEnumerable<FieldInfo> Fields(Type type)
    {
        for (Type own = type; own != typeof(XmlObject); own = own.BaseType)
        {
            foreach (FieldInfo field in own.GetFields(Own))
            {
                yield return field;
            }
        }
    }
}
